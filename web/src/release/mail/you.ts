import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { MailState } from '@contract/mail'
import { type MailKind } from '@core/release/notices'
import { api } from '../../platform/api'
import { useAttempt } from '../../platform/parts/attempt'
import { t } from './messages'

/** What concerns the person who is signed in: what they are written of, and the address that their own calendar reads. */
export const useYou = defineStore('you', () => {
  const mail = shallowRef<MailState | null>(null)
  const calendarAddress = ref<string | null>(null)
  const { problem, busy, attempt } = useAttempt(t('nothingWasChanged'))

  const load = (): Promise<boolean> =>
    attempt(async () => {
      const [state, { address }] = await Promise.all([api.mail(), api.calendarAddress()])
      mail.value = state
      calendarAddress.value = address
    })

  /** Wants to be written of something, or not. */
  const choose = (kind: MailKind, isWanted: boolean): Promise<boolean> =>
    attempt(async () => {
      const others = mail.value!.unwanted.filter(other => other !== kind)
      mail.value = await api.chooseMail({ unwanted: isWanted ? others : [...others, kind] })
    })

  const renewAddress = (): Promise<boolean> =>
    attempt(async () => {
      calendarAddress.value = (await api.renewCalendarAddress()).address
    })
  const dropAddress = (): Promise<boolean> =>
    attempt(async () => {
      calendarAddress.value = (await api.dropCalendarAddress()).address
    })

  return { mail, calendarAddress, problem, busy, load, choose, renewAddress, dropAddress }
})
