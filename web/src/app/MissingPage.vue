<template>
  <section class="lonely">
    <h1>Nothing is at this address</h1>
    <p><RouterLink to="/watch">Go to Watch</RouterLink> and start from there.</p>
  </section>
</template>

<style scoped>
.lonely {
  padding: 48px 20px;
}
</style>
