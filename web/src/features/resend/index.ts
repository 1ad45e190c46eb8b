export { default as ForeseenRows } from './ForeseenRows.vue'
export { default as ResendLines } from './ResendLines.vue'
export { default as SendAgain } from './SendAgain.vue'
export { readResends, type Resend } from './api'
