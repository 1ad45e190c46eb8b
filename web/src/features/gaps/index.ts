export { readGaps, type Gap } from './api'
export { default as MissingTime } from './MissingTime.vue'
