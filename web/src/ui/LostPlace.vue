<template>
  <main class="empty">
    <h1>No page at this address</h1>
    <p>It may have moved, or the address is incomplete.</p>
    <RouterLink to="/catalogue">Go to the catalogue</RouterLink>
  </main>
</template>
