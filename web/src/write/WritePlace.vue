<template><main class="empty">…</main></template>
