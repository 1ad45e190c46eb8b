<script setup lang="ts">
import CircleDrawing from './CircleDrawing.vue'
import type { Circle } from './api'

/** The circles that a bridge is in: each as a drawing, as a way in words, and as a judgement. */
defineProps<{ circles: Circle[] }>()
const END: Record<Circle['end'], string> = {
  STOPS: 'It comes to an end',
  DOES_NOT_STOP: 'It does not come to an end',
  CANNOT_BE_TOLD: 'Whether it comes to an end cannot be told',
}
</script>

<template>
  <section v-for="circle in circles" :key="circle.sentence" class="circle">
    <CircleDrawing :circle="circle" />
    <ol>
      <li v-for="(turn, place) in circle.turns" :key="place">
        “{{ turn.name }}”<template v-if="turn.effect"
          >, then {{ turn.effect.replaceAll('-', ' ') }},</template
        >
        writes to {{ turn.to }}
      </li>
    </ol>
    <p :class="{ bad: circle.end === 'DOES_NOT_STOP' }">
      <b>{{ END[circle.end] }}.</b>
    </p>
    <ul>
      <li v-for="reason in circle.because" :key="reason">{{ reason }}</li>
    </ul>
  </section>
</template>

<style scoped>
.circle {
  margin-bottom: 14px;
}
ol,
ul {
  margin: 4px 0;
  padding-left: 20px;
}
</style>
