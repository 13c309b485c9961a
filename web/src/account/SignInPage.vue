<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Password from 'primevue/password'
import { computed, reactive, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Problem } from '@contract/problem'
import { credentials as known, newAccount } from '@contract/session'
import { faultsOf } from '../parts/checked'
import ProblemNote from '../parts/ProblemNote.vue'
import { problemOf } from '../parts/problems'
import { useSession } from './session'

const sessions = useSession()
const route = useRoute()
const router = useRouter()
const credentials = reactive({ email: '', password: '' })
const problem = ref<Pick<Problem, 'title' | 'detail' | 'todo'> | null>(null)
const busy = ref(false)
const firstVisit = computed(() => sessions.session?.firstVisit ?? false)

async function enter(): Promise<void> {
  busy.value = true
  problem.value = null
  try {
    if (!sessions.session) await sessions.load()
    const [fault] = await faultsOf(firstVisit.value ? newAccount : known, credentials)
    if (fault) {
      problem.value = {
        title: fault.field === 'email' ? 'The e-mail address cannot be right' : 'The password cannot be right',
        detail: fault.rule,
        todo: 'Mend it, then press again.',
      }
      return
    }
    await sessions.enter(credentials)
    const then = route.query.then
    await router.push(
      typeof then === 'string' && then.startsWith('/') && !then.startsWith('//') ? then : { name: 'home' },
    )
  } catch (error) {
    problem.value = problemOf(error, 'Your words are still here.')
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="gate">
    <div class="sheet">
      <h1>Lake Letter</h1>
      <p class="quiet">
        {{
          firstVisit
            ? 'This is the first visit. Make the account that this house belongs to.'
            : 'From a finished episode to every listening app.'
        }}
      </p>
      <form @submit.prevent="enter">
        <div class="field">
          <label for="email">E-mail</label>
          <InputText id="email" v-model="credentials.email" type="email" autocomplete="username" required autofocus />
        </div>
        <div class="field">
          <label for="password">Password</label>
          <Password
            v-model="credentials.password"
            input-id="password"
            :feedback="false"
            toggle-mask
            fluid
            required
            :input-props="{ autocomplete: firstVisit ? 'new-password' : 'current-password', required: true }"
          />
          <span v-if="firstVisit" class="hint">At least 12 characters; a few words in a row are good.</span>
        </div>
        <ProblemNote v-if="problem" :problem="problem" />
        <Button type="submit" :label="firstVisit ? 'Make the account' : 'Sign in'" :loading="busy" />
      </form>
    </div>
    <div class="water" aria-hidden="true" />
  </main>
</template>

<style scoped>
.gate {
  display: grid;
  grid-template-rows: 1fr minmax(18vh, auto);
  min-height: 100vh;
}
.sheet {
  width: min(24rem, 100% - 2.5rem);
  margin: auto;
  padding: var(--space-6);
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: var(--round);
  box-shadow: var(--shade);
}
h1 {
  font-size: var(--text-2xl);
  margin-bottom: var(--space-2);
}
form {
  display: grid;
  gap: var(--space-4);
  margin-top: var(--space-5);
}
.water {
  background: var(--deep);
  mask:
    url("data:image/svg+xml,%3Csvg xmlns='http://www.w3.org/2000/svg' width='160' height='24'%3E%3Cpath d='M0 12Q40 0 80 12T160 12V24H0Z'/%3E%3C/svg%3E")
      repeat-x 0 0,
    linear-gradient(transparent 23px, #000 23px);
}
</style>
