export { default as ToComePage } from './ToComePage.vue'
