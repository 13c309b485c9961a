/** What a machine hears instead: names that it has never met, and words that sound like others. */
const misheard: readonly (readonly [said: string, heard: string])[] = [
  ['Quillhart', 'Quill Heart'],
  ['Agathe', 'Agatha'],
  ['Lindenwick', 'Linden Wick'],
  ['Benno', 'Ben Oh'],
  ['Amabel', 'Amabelle'],
  ['Nether Odrem', 'Neither Odrem'],
  ['Aldermoor', 'Alder Moor'],
  ['Bellows and Reeds', 'Bellows and Reads'],
  ['cipher', 'sigh for'],
  ['hymn', 'him'],
  ['choir', 'quire'],
  ['wax', 'whacks'],
  ['rosin', 'raisin'],
  ['reed', 'read'],
  ['reeds', 'reads'],
  ['pear', 'pair'],
  ['key', 'quay'],
  ['pane', 'pain'],
  ['hole', 'whole'],
  ['fair', 'fare'],
  ['abbess', 'abyss'],
]
const slip = new RegExp(`\\b(?:${misheard.map(([said]) => said).join('|')})\\b`, 'g')
const heardFor = new Map(misheard)

/** Of so many slips one is made without a doubt; of so many cues one has a right word that is doubted all the same. */
const [sureEvery, doubtedEvery] = [3, 9]
const [stopLessEvery, strangerEvery] = [4, 7]

/**
 * Makes of what is said in a sound what a copyist would hear: other names, words that sound alike, stops left out, now and
 * then another speaker. What it doubts is a span of the class `doubtful`. The same comes out each time.
 */
export function withSlips(vtt: string): string {
  let slips = 0
  let cues = 0
  return vtt.replace(/^<v [^>]*>(.*)$/gm, (_line, said: string) => {
    cues++
    let isDoubted = false
    const heard = said.replace(slip, words => {
      const isSure = ++slips % sureEvery === 0
      isDoubted ||= !isSure
      return isSure ? heardFor.get(words)! : doubted(heardFor.get(words)!)
    })
    const more = !isDoubted && cues % doubtedEvery === 0 ? heard.replace(longestWord(heard), doubted) : heard
    const stopped = cues % stopLessEvery === 0 ? more.replace(/[.,]$/, '') : more
    return `<v Speaker ${cues % strangerEvery === 0 ? 2 : 1}>${stopped}`
  })
}

const doubted = (words: string): string => `<c.doubtful>${words}</c>`

const longestWord = (said: string): string =>
  said
    .split(/[^\p{L}]+/u)
    .filter(word => word !== 'doubtful')
    .toSorted((one, other) => other.length - one.length)[0] ?? said
