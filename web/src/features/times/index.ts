export { default as BridgeTimes } from './BridgeTimes.vue'
export { default as CatchUp } from './CatchUp.vue'
export { default as OffDays } from './OffDays.vue'
export { default as TimesEditor } from './TimesEditor.vue'
