<template>
  <main class="column lone">
    <h1>Nothing at this address</h1>
    <p class="quiet">The page may have moved, or the episode may have been taken out by its maker.</p>
  </main>
</template>
