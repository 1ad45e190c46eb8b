export { default as WherePage } from './WherePage.vue'
