<script setup lang="ts">
import Button from 'primevue/button'
import InputText from 'primevue/inputtext'
import Password from 'primevue/password'
import { computed, reactive, ref } from 'vue'
import type { Problem } from '@contract/problem'
import { credentials as known, newAccount } from '@contract/session'
import { faultsOf } from '../../platform/parts/checked'
import ProblemNote from '../../platform/parts/ProblemNote.vue'
import { problemOf } from '../../platform/parts/problems'
import { useSession } from './session'
import { t } from './messages'

/** Email and password; says when they were right. */
const props = defineProps<{ email?: string }>()
const emit = defineEmits<{ entered: [] }>()
const sessions = useSession()
const credentials = reactive({ email: props.email ?? '', password: '' })
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
        title: fault.field === 'email' ? t('emailFaulty') : t('passwordFaulty'),
        detail: fault.rule,
        todo: t('correctAndRetry'),
      }
      return
    }
    await sessions.enter(credentials)
    emit('entered')
  } catch (error) {
    problem.value = problemOf(error, t('wordsStillHere'))
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <form class="spaced gap-4" @submit.prevent="enter">
    <div class="field">
      <label for="email">{{ t('email') }}</label>
      <InputText
        id="email"
        v-model="credentials.email"
        type="email"
        autocomplete="username"
        :autofocus="!email"
        required
      />
    </div>
    <div class="field">
      <label for="password">{{ t('password') }}</label>
      <Password
        v-model="credentials.password"
        input-id="password"
        :feedback="false"
        toggle-mask
        fluid
        required
        :input-props="{
          autocomplete: firstVisit ? 'new-password' : 'current-password',
          required: true,
          autofocus: !!email,
        }"
      />
      <span v-if="firstVisit" class="hint">{{ t('passwordHint') }}</span>
    </div>
    <ProblemNote v-if="problem" :problem="problem" />
    <Button type="submit" :label="firstVisit ? t('createAccount') : t('signIn')" :loading="busy" />
  </form>
</template>
