import { expect, it } from 'vitest'
import { filledShareText, firstShareTexts, mailLink, shareTextFault } from './texts'

const values = {
  title: 'The harmonium that coughed',
  number: '31',
  hook: '',
  guests: 'Odile Varn',
  show: 'Bellows & Reeds',
  page: 'https://lake.example/b/h',
  feed: 'https://lake.example/b/feed.xml',
}

it('a text is filled in, and a line whose field is empty goes', () => {
  expect(filledShareText('{number}. {title}\n{hook}\n\n\nWith {guests}: {page} {nothing}', values)).toBe(
    '31. The harmonium that coughed\n\nWith Odile Varn: https://lake.example/b/h {nothing}',
  )
  for (const template of Object.values(firstShareTexts)) {
    expect(shareTextFault(template)).toBeNull()
    expect(filledShareText(template, values)).not.toMatch(/[{}]|\n\n\n/)
  }
})
it('what an episode has is not filled in once more', () => {
  expect(filledShareText('{title}', { ...values, title: '{page} $&' })).toBe('{page} $&')
})
it('a field that there is not is named', () => {
  expect(shareTextFault('Hear {tilte}')).toMatch(/^There is no field \{tilte\}; there are \{title\}, /)
})

// RFC 6068 section 5: line breaks in the body are %0D%0A.
it('a mail has its first line as its subject', () => {
  expect(mailLink('A & B\n\nOne\nTwo')).toBe('mailto:?subject=A%20%26%20B&body=One%0D%0ATwo')
})
