import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import type { Credentials, Session } from '@contract/session'
import type { ClockMove } from '@contract/clockOffset'
import { api } from '../../platform/api'
import { setAhead } from '../../platform/time/now'

/** Who is signed in, and what the server says about itself. */
export const useSession = defineStore('session', () => {
  const session = ref<Session | null>(null)
  /** Who was signed in here until the session ran out in the middle of something. */
  const ranOut = ref<Session['account']>(null)
  const isSomebodyElse = computed(
    () => ranOut.value !== null && session.value?.account != null && session.value.account.id !== ranOut.value.id,
  )

  async function load(): Promise<Session> {
    session.value = await api.session()
    setAhead(session.value.demo?.clockOffsetMs ?? 0)
    return session.value
  }

  async function enter(credentials: Credentials): Promise<void> {
    await (session.value?.firstVisit ? api.createFirstAccount(credentials) : api.signIn(credentials))
    await load()
  }

  async function leave(): Promise<void> {
    await api.signOut()
    await load()
  }

  /** Moves the clock of the house forward; everybody here hears of it. */
  async function moveClock(to: ClockMove): Promise<void> {
    await api.moveClock(to)
    await load()
  }

  /** The server knows the session no more. */
  function runOut(): void {
    if (!session.value?.account) return
    ranOut.value = session.value.account
    session.value = { ...session.value, account: null }
  }

  return { session, ranOut, isSomebodyElse, load, enter, leave, moveClock, runOut }
})
