export { default as PairsPage } from './PairsPage.vue'
