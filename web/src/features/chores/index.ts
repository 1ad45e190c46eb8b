export { default as BridgeChores } from './BridgeChores.vue'
export { default as ChoresEditor } from './ChoresEditor.vue'
