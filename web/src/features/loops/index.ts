export { default as BridgeLoops } from './BridgeLoops.vue'
export { default as CircleList } from './CircleList.vue'
