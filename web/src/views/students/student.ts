import { inject, provide, type InjectionKey, type Ref } from 'vue'

import type { Pupil } from '../../api/client'

/** The student whose pages are open. */
export interface OpenStudent {
  pupil: Readonly<Ref<Pupil>>
  /** Archived, or to be removed. */
  isAway: Readonly<Ref<boolean>>
  /** Asks for what is known now. */
  reload: () => Promise<void>
  away: (how: 'archive' | 'remove') => Promise<unknown>
}

const key: InjectionKey<OpenStudent> = Symbol('student')

export const openStudent = (student: OpenStudent) => provide(key, student)

/** The student on whose page this is. */
export function useStudent(): OpenStudent {
  const student = inject(key)
  if (!student) throw new Error('this page stands on that of a student')
  return student
}
