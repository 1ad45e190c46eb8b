export { default as BridgeNotes } from './BridgeNotes.vue'
export { default as KnownTroubles } from './KnownTroubles.vue'
