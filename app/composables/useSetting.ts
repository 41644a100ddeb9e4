/** A setting of the person, kept in the browser where it allows that. */
import { useStorage } from '@vueuse/core'
import type { Ref } from 'vue'

/** The type of a setting whose first value is a literal. */
type Widened<T> = T extends boolean ? boolean : T extends number ? number : T

/** @param name unique in the application @param initial where nothing is kept @param shallow for plain data that is handed on as it is */
export function useSetting<T extends string | number | boolean | object>(
  name: string,
  initial: T,
  shallow = false,
): Ref<Widened<T>> {
  return useStorage<Widened<T>>(`oar-bench-${name}`, initial as Widened<T>, undefined, {
    shallow,
    // a browser that denies storage forgets the setting with the page, and works without
    onError: () => undefined,
  })
}
