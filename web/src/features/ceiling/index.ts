export { default as CeilingLines } from './CeilingLines.vue'
export { inSpan, manyOf, origin, telling } from './words'
