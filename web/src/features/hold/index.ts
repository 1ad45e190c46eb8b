export { default as HoldControl } from './HoldControl.vue'
export { default as RetireControl } from './RetireControl.vue'
export { readHeld, readWaiting } from './api'
