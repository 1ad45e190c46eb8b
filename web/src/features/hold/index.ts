export { default as HoldControl } from './HoldControl.vue'
export { readHeld } from './api'
