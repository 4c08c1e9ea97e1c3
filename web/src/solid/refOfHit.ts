import type { BodyState } from '@lathica/core'
import { refAt, refsCalled, wholeBody, type SectionRef } from '../board/refs'
import { REF_REACH, type Ask } from '../board/tools'
import type { Hit } from './picking'

/**
 * What a place of the surface means to the step or measure that asks: a place of the surface is one of the
 * section. A face that no full turn made is told when nothing is asked for.
 */
export function refOfHit(
  hit: Hit & { readonly perPixel: number },
  ask: Ask | undefined,
  visible: readonly BodyState[],
): SectionRef | undefined {
  const among = (ask?.bodies() ?? visible).filter((b) => b.bodyId === hit.body)
  const isTurned =
    hit.face === undefined || refsCalled(among, [hit.face.replace(/@.*$/, '')]).length > 0
  if (!isTurned) {
    return ask ? undefined : { body: hit.body, key: hit.face ?? '', solidFace: hit.face ?? '' }
  }
  const accept = !ask || ask.accept === 'region' ? 'face' : ask.accept
  const found = refAt(among, hit.at, REF_REACH * hit.perPixel, accept)
  // On a cut face, away from its edges, lies the body.
  const [body] = ask?.wholes ? among : []
  return found ?? (body && wholeBody(body))
}
