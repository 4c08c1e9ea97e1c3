import { usePreferredDark, useStorage } from '@vueuse/core'
import { theme as antTheme } from 'ant-design-vue'
import { computed, watchEffect, type ComputedRef, type Ref } from 'vue'

export type ThemeName = 'light' | 'dark'

const LIGHT = {
  colorPrimary: '#2e7d6b',
  colorInfo: '#2e7d6b',
  colorSuccess: '#2e7d6b',
  colorTextBase: '#1e2a32',
  colorBgBase: '#fcfbf7',
  colorBorder: '#bdb5a2',
  colorError: '#b23a2e',
  colorWarning: '#8f6217',
}

const DARK = {
  colorPrimary: '#63b59f',
  colorInfo: '#63b59f',
  colorSuccess: '#63b59f',
  colorTextBase: '#ece7da',
  colorBgBase: '#222a2f',
  colorBorder: '#56636a',
  colorError: '#e8806f',
  colorWarning: '#d9a548',
  colorTextLightSolid: '#14201d',
}

/** The chosen theme, the system's when none was chosen, and what the components are given of it. */
export function useTheme(): {
  readonly name: Ref<ThemeName>
  readonly config: ComputedRef<object>
} {
  const prefersDark = usePreferredDark()
  const chosen = useStorage<ThemeName | ''>('lathica.theme', '')
  const name = computed<ThemeName>({
    get: () => chosen.value || (prefersDark.value ? 'dark' : 'light'),
    set: (value) => (chosen.value = value),
  })
  watchEffect(() => {
    document.documentElement.dataset['theme'] = name.value
  })
  const config = computed(() => ({
    algorithm: name.value === 'dark' ? antTheme.darkAlgorithm : antTheme.defaultAlgorithm,
    token: {
      ...(name.value === 'dark' ? DARK : LIGHT),
      borderRadius: 3,
      fontFamily: "'IBM Plex Sans', sans-serif",
      fontSize: 13,
      controlHeight: 30,
      wireframe: true,
      boxShadow: 'none',
      boxShadowSecondary: '0 2px 10px rgb(30 42 50 / 18%)',
      controlOutlineWidth: 0,
      motionDurationMid: '0.1s',
      motionDurationSlow: '0.12s',
    },
  }))
  return { name, config }
}
