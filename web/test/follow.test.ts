// @vitest-environment jsdom
import { describe, expect, it, vi } from 'vitest'
import { computed, ref } from 'vue'
import { following } from '../src/store/follow'

describe('what follows the drawing', () => {
  it('is up to date at once while nothing is under way', () => {
    const source = ref(1)
    const followed = following(
      computed(() => source.value),
      () => false,
    )
    source.value = 2
    expect(followed.value).toBe(2)
  })

  it('lags while values follow one another, and then comes to the last of them', async () => {
    vi.useFakeTimers()
    const source = ref(1)
    let hurried = true
    const followed = following(
      computed(() => source.value),
      () => hurried,
    )
    for (let i = 2; i < 9; i++) source.value = i
    expect(followed.value).toBe(1)
    await vi.advanceTimersByTimeAsync(300)
    expect(followed.value).toBe(8)
    source.value = 9
    hurried = false
    source.value = 10
    expect(followed.value).toBe(10)
    await vi.advanceTimersByTimeAsync(300)
    expect(followed.value).toBe(10)
    vi.useRealTimers()
  })
})
