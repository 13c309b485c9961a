import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Credentials, Session } from '@contract/session'
import { api } from '../api'

/** Who is signed in, and what the server says about itself. */
export const useSession = defineStore('session', () => {
  const session = ref<Session | null>(null)

  async function load(): Promise<Session> {
    session.value = await api.session()
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

  function forget(): void {
    if (session.value) session.value = { ...session.value, account: null }
  }

  return { session, load, enter, leave, forget }
})
