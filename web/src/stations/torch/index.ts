export { BigClock } from './BigClock'
export { Temperature } from './Temperature'
export { useJobClock } from './useJobClock'
