<script setup lang="ts">
import { useEventListener, useTimeoutFn } from '@vueuse/core'
import Dialog from 'primevue/dialog'
import { computed, ref } from 'vue'
import { useRoute } from 'vue-router'
import { useSession } from './session'
import SignInForm from './SignInForm.vue'
import { t } from './messages'

/** Over whatever was being done when the session ran out, so that it can go on right there. */
const sessions = useSession()
const route = useRoute()
/** Whoever is writing is asked when they pause, so that no letter goes astray. */
const pauseMs = 1_000
const isPausing = ref(true)
const pause = useTimeoutFn(() => (isPausing.value = true), pauseMs, { immediate: false })
function onKey(): void {
  if (isAsked.value) return
  isPausing.value = false
  pause.start()
}
const isAsked = computed(() => sessions.ranOut !== null && isPausing.value && route.name !== 'sign-in')

/** Somebody else sees their own studio, not what is open here. */
function goOn(): void {
  if (!sessions.isSomebodyElse) sessions.ranOut = null
  else location.assign('/studio/')
}

/** Whoever has signed in again in another window is in here, too. */
async function look(): Promise<void> {
  if (!isAsked.value) return
  const { account } = await sessions.load()
  if (account) goOn()
}
useEventListener('focus', () => void look().catch(() => undefined))
useEventListener('keydown', onKey, { capture: true })
</script>

<template>
  <Dialog :visible="isAsked" modal :closable="false" :header="t('signInAgain')" :style="{ width: 'min(26rem, 94vw)' }">
    <p class="quiet said">
      {{ t('sessionRunOut') }}
    </p>
    <SignInForm :email="sessions.ranOut?.email" @entered="goOn" />
  </Dialog>
</template>

<style scoped>
.said {
  margin-block-end: var(--space-4);
}
</style>
