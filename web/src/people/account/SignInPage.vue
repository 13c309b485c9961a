<script setup lang="ts">
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useSession } from './session'
import SignInForm from './SignInForm.vue'
import { t } from './messages'

const sessions = useSession()
const route = useRoute()
const router = useRouter()
const firstVisit = computed(() => sessions.session?.firstVisit ?? false)

async function goOn(): Promise<void> {
  sessions.ranOut = null
  const then = route.query.then
  await router.push(
    typeof then === 'string' && then.startsWith('/') && !then.startsWith('//') ? then : { name: 'home' },
  )
}
</script>

<template>
  <main class="gate">
    <div class="sheet boxed">
      <h1 class="text-2xl mb-2">{{ t('lakeLetter') }}</h1>
      <p class="quiet">
        {{ firstVisit ? t('firstVisit') : t('welcome') }}
      </p>
      <SignInForm class="form" @entered="goOn" />
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
  box-shadow: var(--shade);
}
.form {
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
