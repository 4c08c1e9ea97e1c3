import type { Drawing } from '@lathica/core/drawing'
import { writeDrawingSvg } from '@lathica/core/formats'
import font from '@fontsource/ibm-plex-mono/files/ibm-plex-mono-latin-400-normal.woff2?url&no-inline'

/** Dots for a mm: 300 to the inch; fewer on the largest sheets, which no canvas would hold. */
const DOTS = 300 / 25.4
const MOST = 14_000

/** The SVG of a sheet as a picture with its font, which runs nothing: it can be shown whoever wrote it. */
export async function pictureOf(svg: string): Promise<string> {
  const answer = await fetch(font)
  const data = await asDataUrl(await answer.blob())
  const style = `<style>@font-face{font-family:'IBM Plex Mono';src:url(${data})}svg{color:#000}</style>`
  const dressed = svg.replace('</title>', `</title>${style}`)
  return asDataUrl(new Blob([dressed], { type: 'image/svg+xml' }))
}

/** A sheet as a picture of dots. @throws where the browser cannot draw it */
export async function pngOf(drawing: Drawing, name: string): Promise<Uint8Array> {
  const { width, height } = drawing.paper
  const dots = Math.min(DOTS, MOST / Math.max(width, height))
  const image = new Image()
  const url = await pictureOf(writeDrawingSvg(drawing, name))
  await new Promise((done, failed) => {
    image.onload = done
    image.onerror = failed
    image.src = url
  })
  const canvas = document.createElement('canvas')
  canvas.width = Math.round(width * dots)
  canvas.height = Math.round(height * dots)
  const context = canvas.getContext('2d')
  if (!context) throw new Error('There is no canvas to draw on.')
  context.fillStyle = '#fff'
  context.fillRect(0, 0, canvas.width, canvas.height)
  context.drawImage(image, 0, 0, canvas.width, canvas.height)
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'))
  if (!blob) throw new Error('The picture could not be made.')
  return new Uint8Array(await blob.arrayBuffer())
}

const asDataUrl = (blob: Blob): Promise<string> =>
  new Promise((done, failed) => {
    const reader = new FileReader()
    reader.onload = () => done(String(reader.result))
    reader.onerror = failed
    reader.readAsDataURL(blob)
  })
