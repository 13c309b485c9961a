<template>
  <main>
    <h1>Page not found</h1>
    <p class="actions"><RouterLink :to="{ name: 'home' }">To your shows</RouterLink></p>
  </main>
</template>

<style scoped>
main {
  padding: 20vh var(--space-6);
}
</style>
