<script setup lang="ts">
import { watch } from 'vue'
import SignInAgain from './account/SignInAgain.vue'
import { useSession } from './account/session'
import { useUploads } from './uploads/uploads'

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
