export { BigClock } from './BigClock'
export { laidOut } from './clocks'
export { Temperature } from './Temperature'
export { useJobClock } from './useJobClock'
