import { expect, it } from 'vitest'
import { readConfiguration } from './configuration'

const DATABASE_URL = 'mariadb://lake@127.0.0.1/lake_letter'

it('the public address follows from host and port, without a slash at its end', () => {
  expect(readConfiguration({ DATABASE_URL }).publicUrl).toBe('http://127.0.0.1:4310')
  expect(readConfiguration({ DATABASE_URL, PUBLIC_URL: 'https://lake.example/' }).publicUrl).toBe(
    'https://lake.example',
  )
})

it('every bad variable is named, with its value and the rule', () => {
  expect(() => readConfiguration({ DATABASE_URL, PORT: '99999', MAX_UPLOAD_BYTES: 'lots' })).toThrow(
    /PORT=99999: .*65535.*MAX_UPLOAD_BYTES=lots: .*number/,
  )
})

it('a variable that has another name now is not passed over', () => {
  expect(() => readConfiguration({ DATABASE_URL, TRAVEL: 'yes' })).toThrow('TRAVEL is called MOVABLE_CLOCK now.')
})
