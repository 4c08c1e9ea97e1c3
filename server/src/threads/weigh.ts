import { parentPort } from 'node:worker_threads'
import { readPart } from '@lathica/core'
import { loadKernel, settlePlans } from '@lathica/kernel'
import { summarise } from '../summary'
import type { WeighAnswer, WeighQuestion } from '../weighing'

/** The thread that weighs: it answers every question with a summary that has its mass. */
const kernel = loadKernel()

parentPort?.on('message', ({ id, document }: WeighQuestion) => {
  void kernel.then((loaded) => {
    const read = readPart(JSON.parse(document))
    if (read.ok) settlePlans(read.value, (plan) => loaded.weigh(plan))
    const answer: WeighAnswer = { id, summary: read.ok ? summarise(read.value) : undefined }
    parentPort?.postMessage(answer)
  })
})
