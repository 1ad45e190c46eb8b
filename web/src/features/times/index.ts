export { default as BridgeTimes } from './BridgeTimes.vue'
export { default as TimesEditor } from './TimesEditor.vue'
