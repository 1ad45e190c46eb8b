export { default as RegisterTable } from './RegisterTable.vue'
