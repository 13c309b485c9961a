<script setup lang="ts">
import { watch } from 'vue'
import SignInAgain from '../people/account/SignInAgain.vue'
import { useSession } from '../people/account/session'
import { useUploads } from '../production/uploads/uploads'

const sessions = useSession()
const uploads = useUploads()

watch(
  () => sessions.session?.account?.id,
  account => {
    if (account) void uploads.resumeAll()
  },
  { immediate: true },
)
</script>

<template>
  <RouterView />
  <SignInAgain />
</template>
