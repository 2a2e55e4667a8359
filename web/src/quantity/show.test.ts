import { describe, expect, it } from 'vitest'
import { ahead, clock, day, dayOfYear, foreseen, hourMark, hoursPastTheHour, minutes, tickOf } from './show'

const wall = (time_zone: string, twelve_hours = false) => ({ time_zone, twelve_hours })
const at = (time: string) => Date.parse(`2026-03-09T${time}Z`)

describe('foreseen', () => {
  it.each([
    ['on the five minutes', '11:40:00', '11:40'],
    ['a second past them', '11:40:01', '11:45'],
    ['just before them', '11:44:59', '11:45'],
    ['over the hour', '11:58:00', '12:00'],
  ])('never says too early: %s', (_, time, said) => {
    expect(foreseen(at(time), wall('UTC'), at('10:00:00'))).toBe(said)
  })

  it('is said in the zone of the shop, with the day where it is another', () => {
    // Half an hour off, as some zones are.
    expect(foreseen(at('18:31:00'), wall('Asia/Kolkata'), at('10:00:00'))).toBe('Tue 00:05')
  })
})

describe('clock', () => {
  it.each([
    ['today', '2026-03-09T06:40:00Z', '06:40'],
    ['within the week', '2026-03-12T06:40:00Z', 'Thu 06:40'],
    ['far', '2026-04-12T06:40:00Z', '12 Apr, 06:40'],
    ['another year', '2027-04-12T06:40:00Z', '12 Apr 2027, 06:40'],
  ])('says as much of the day as is needed: %s', (_, time, said) => {
    expect(clock(Date.parse(time), wall('UTC'), at('05:00:00'))).toBe(said)
  })
})

describe('a clock of twelve hours', () => {
  it.each([
    ['midnight', '2026-03-09T00:05:00Z', '12:05 am'],
    ['the morning', '2026-03-09T06:40:00Z', '6:40 am'],
    ['noon', '2026-03-09T12:00:00Z', '12:00 pm'],
    ['the evening, within the week', '2026-03-12T18:40:00Z', 'Thu 6:40 pm'],
    ['far', '2026-04-12T18:40:00Z', '12 Apr, 6:40 pm'],
  ])('says morning or afternoon: %s', (_, time, said) => {
    expect(clock(Date.parse(time), wall('UTC', true), at('05:00:00'))).toBe(said)
  })

  it('marks whole hours without their minutes', () => {
    expect(hourMark(at('16:00:00'), wall('UTC', true))).toBe('4 pm')
    expect(hourMark(at('16:30:00'), wall('UTC', true))).toBe('4:30 pm')
    expect(hourMark(at('16:00:00'), wall('UTC'))).toBe('16:00')
  })

  it('is the same in the record', () => {
    expect(day(at('13:05:00'), wall('UTC', true))).toBe('9 Mar 2026, 1:05 pm')
    expect(day(at('13:05:00'), wall('UTC'))).toBe('9 Mar 2026, 13:05')
  })
})

describe('minutes', () => {
  it.each([
    [-3, '0 min'],
    [59.6, '1 h 00'],
    [185, '3 h 05'],
  ])('says %d', (value, said) => {
    expect(minutes(value)).toBe(said)
  })
})

describe('hours past the hour', () => {
  it.each([
    ['whole hours off', 'Europe/London', 20 / 60],
    // Hand-worked: 11:50, 13:05 and 06:50 of the wall clock at 07:20 UTC less or more
    ['half an hour off', 'Asia/Kolkata', 50 / 60],
    ['three quarters off', 'Asia/Kathmandu', 5 / 60],
    ['half an hour off to the west', 'America/St_Johns', 50 / 60],
  ])('are those of the clock on the wall: %s', (_, zone, hours) => {
    expect(hoursPastTheHour(at('07:20:00'), wall(zone))).toBeCloseTo(hours, 9)
  })

  it('count seconds', () => {
    expect(hoursPastTheHour(at('07:20:36'), wall('UTC'))).toBeCloseTo(20.6 / 60, 9)
  })
})

describe('a mark of a scale', () => {
  it('says how far ahead it lies', () => {
    expect([0, 240, 2880, 20160].map(ahead)).toEqual(['now', '4 h', '2 d', '2 wk'])
  })

  it('is in minutes until the axis holds two hours', () => {
    expect([0, 12.54, 60].map(tickOf(119))).toEqual(['0 min', '12.5 min', '60 min'])
    expect([0, 90, 120].map(tickOf(120))).toEqual(['0 h', '1.5 h', '2 h'])
  })
})

it('a day of the year is that of the shop, over midnight too', () => {
  expect(dayOfYear(at('23:30:00'), 'UTC')).toBe('9 Mar')
  expect(dayOfYear(at('23:30:00'), 'Asia/Kolkata')).toBe('10 Mar')
})
