import type { InjectionKey, Ref } from 'vue'
import type { ThemeName } from './theme'

/** Where components find the current theme and can change it. */
export const THEME: InjectionKey<Ref<ThemeName>> = Symbol('theme')
