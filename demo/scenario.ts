import type { NewShow } from '@contract/shows'
import type { NewStrand } from '@contract/strands'
import type { FeedFacts } from '@core/feed/facts'

/** What the demo tells: two shows of our own making. Days are counted from today, so that the demo never grows old. */
export interface DemoEpisode {
  number: number
  title: string
  /** File in demo/sounds; null for a draft whose audio is still to come. */
  sound: string | null
  notes: string
  hook?: string
  tags?: readonly string[]
  guests?: readonly string[]
  /** Its own chapters: seconds and titles. */
  chapters?: readonly (readonly [seconds: number, title: string])[]
  /** Stretches to be passed on: seconds from and to, and titles. */
  soundbites?: readonly (readonly [from: number, to: number, title: string])[]
  /** File in demo/artwork, of its own. */
  artwork?: string
  /** It was finished before it went out; else it went out as it was uploaded. */
  finished?: true
  status: 'released' | 'scheduled' | 'draft'
  /** Days from today to the release, at the show's usual time. */
  dayOffset: number
}

export interface DemoShow {
  facts: Omit<NewShow, 'artworkId'>
  artwork: string
  /** The wall time at which the show usually goes out, in its zone. */
  usualTime: string
  /** It goes out every so many weeks, counted from the first episode. */
  everyWeeks: number
  /** Where most listeners are. */
  listenerZones: string[]
  /** What else its feed says. */
  feedFacts: Partial<FeedFacts>
  strands: readonly Omit<NewStrand, 'artworkId'>[]
  /** Pages of the maker's own. */
  pages: readonly { title: string; content: string }[]
  /** Comments to the newest episode; one without an answer waits to be read. */
  comments: readonly { name: string; words: string; answer: string | null }[]
  episodes: readonly DemoEpisode[]
}

export const demoAccount = { email: 'demo@lakeletter.example', password: 'lake-letter-demo' }

const workshopNotes = (first: string, more: string, links: string): string => `<p>${first}</p><p>${more}</p>${links}`

export const demoShows: readonly DemoShow[] = [
  {
    facts: {
      slug: 'bellows-and-reeds',
      name: 'Bellows & Reeds',
      description:
        'People who mend accordions, harmoniums and reed organs, and the instruments that bring them to it. A fortnightly half hour from a workshop on a lake, with the kettle on and the window open.',
      language: 'en-gb',
      author: 'Tove Aldermoor',
      ownerEmail: 'workshop@bellowsandreeds.example',
      category: 'Leisure',
      subcategory: 'Crafts',
      explicit: false,
      type: 'episodic',
      zone: 'Europe/Zurich',
    },
    artwork: 'bellows-and-reeds.jpg',
    usualTime: '06:00',
    everyWeeks: 2,
    listenerZones: ['America/New_York'],
    feedFacts: {
      copyright: '© The workshop on the lake',
      place: 'A workshop on a lake',
      keywords: ['accordion', 'harmonium', 'reed organ', 'repair'],
      funding: [{ words: 'Buy the workshop a reed', address: 'https://bellowsandreeds.example/reed' }],
      secondCategory: { category: 'Music', subcategory: 'Music History' },
    },
    strands: [
      {
        slug: 'only-reeds',
        name: 'Bellows & Reeds: only reeds',
        description: 'The episodes that are about reeds and nothing else, for those at the bench.',
        goesBy: 'tag',
        value: 'reeds',
        isPrivate: false,
      },
    ],
    pages: [
      {
        title: 'About the workshop',
        content:
          '<p>We mend what breathes: accordions, harmoniums, reed organs. The workshop stands on the lake, and the window is mostly open.</p><h3>To bring something</h3><p>Write first to <a href="mailto:workshop@bellowsandreeds.example">workshop@bellowsandreeds.example</a>. Instruments that come in the rain wait until they are dry.</p><ul><li>Mondays are for reeds.</li><li>Thursdays are for leather.</li></ul>',
      },
    ],
    comments: [
      {
        name: 'Ilse from the ferry',
        words:
          'My aunt’s had the same fold worn, and she only ever played one march.\n\nIs card better than cloth for the new ones?',
        answer: 'Card for the folds, cloth for the corners, and a year of patience for both.',
      },
      { name: 'A reader of labels', words: 'What was the name inside the lid?', answer: null },
    ],
    episodes: [
      {
        number: 31,
        title: 'The harmonium that coughed',
        sound: 'br-31.mp3',
        chapters: [
          [0, 'Plays, but coughs'],
          [32.7, 'A candle along the seam'],
          [52, 'A postage stamp, sixty years old'],
          [65.9, 'Sheepskin, and no cough'],
        ],
        status: 'released',
        dayOffset: -82,
        hook: 'A draught, a candle and a postage stamp from sixty years ago.',
        tags: ['harmonium', 'reservoirs', 'hide glue'],
        guests: ['Benno Quillhart'],
        notes: workshopNotes(
          'A harmonium arrives on a handcart with a note pinned to it: <em>plays, but coughs</em>.',
          'Benno Quillhart finds the draught with a candle, and sixty years earlier somebody had found it too, and mended it with a postage stamp. We show how to patch a reservoir with sheepskin and hide glue, and how long to leave it alone afterwards.',
          '<ul><li>The candle trick, step by step: <a href="https://bellowsandreeds.example/candle">bellowsandreeds.example/candle</a></li><li>Hide glue by the spoon: ask at your violin maker’s</li></ul>',
        ),
      },
      {
        number: 32,
        title: 'A drawer full of reeds',
        sound: 'br-32.mp3',
        chapters: [
          [0, 'Forty-one drawers'],
          [23.3, 'Grumpy, thin, Sunday, next door'],
          [36.5, 'Brass on flagstones'],
          [51.8, 'The drawer marked Uncle'],
        ],
        status: 'released',
        dayOffset: -68,
        hook: 'Forty-one drawers, and on every one a word instead of a note.',
        tags: ['reeds', 'button accordion'],
        guests: ['Agathe Lindenwick'],
        notes: workshopNotes(
          'Agathe Lindenwick keeps reeds in forty-one drawers, and on every drawer stands a word instead of a note.',
          'We came for one low reed for a button box that had lost its growl. We stayed for coffee, for the drawer marked <strong>Uncle</strong>, and for what a nine-year-old can hear when metal falls on flagstones.',
          '<p>Agathe sells reeds singly, on Thursdays. Write before you come: <a href="mailto:reeds@lindenwick.example">reeds@lindenwick.example</a>.</p>',
        ),
      },
      {
        number: 33,
        title: 'Wax, or the smell of a good morning',
        sound: 'br-33.mp3',
        chapters: [
          [0, 'Held in with wax'],
          [27.9, 'Today we cook'],
          [46, 'A promise to a stranger'],
          [58.6, 'Once around the plate'],
        ],
        soundbites: [
          [28, 45.5, 'Four parts beeswax'],
          [46, 62.5, 'Why wax is a promise'],
        ],
        status: 'released',
        dayOffset: -54,
        hook: 'Four parts beeswax, one part rosin, and a pan that must not get too hot.',
        tags: ['reeds', 'wax'],
        notes: workshopNotes(
          'Four parts beeswax, one part rosin, and a pan that must not get too hot: the wax that holds reeds in.',
          'Also in this half hour: how we lost the curtains, why wax is a promise to a stranger, and a listener’s question about old wax that has gone to powder.',
          '<ol><li>Melt the wax, then add the rosin, never the other way round</li><li>Off the flame, wait for the skin</li><li>Once around the plate without stopping</li></ol>',
        ),
      },
      {
        number: 34,
        title: 'The accordion under the stage',
        sound: 'br-34.mp3',
        chapters: [
          [0, 'Eleven hats and a set of teeth'],
          [27.2, 'Under there since the flood'],
          [43.8, 'Opened slowly'],
          [67, 'If it was yours'],
        ],
        status: 'released',
        dayOffset: -40,
        hook: 'It lay under the dance hall since the flood, and every reed still speaks.',
        tags: ['accordion', 'found instruments'],
        guests: ['Benno Quillhart'],
        notes: workshopNotes(
          'Eleven hats, a set of teeth and an accordion lay under the boards of the dance hall at Nether Odrem.',
          'It had been there since the night of the flood, wrapped in oilcloth. We open it for the first time, and every reed speaks. There is a name inside the lid. If you think it might be your family’s, <a href="https://bellowsandreeds.example/nether-odrem">tell us what else is written there</a>.',
          '<p>The hats are with the theatre. Nobody has asked about the teeth.</p>',
        ),
      },
      {
        number: 35,
        title: 'Tuning by the ferry bell',
        sound: 'br-35.mp3',
        status: 'released',
        dayOffset: -26,
        hook: 'A whole octave tuned to a bell, one reed an evening.',
        tags: ['reeds', 'tuning'],
        guests: ['Benno Quillhart'],
        notes: workshopNotes(
          'The six o’clock ferry rings an A, more or less, and Benno tunes a whole octave to it, one reed an evening.',
          'Scratch near the tip and the reed goes up, near the root and it goes down. Between two bells there is time to talk about patience, and about the little green light that lives under the bread.',
          '<p>0:00 Six o’clock</p><p>0:19 The bell across the water</p><p>0:41 A reed an evening</p><p>0:59 The little green light</p><p>The ferry has a show of its own by now: <a href="https://slowferry.example">Slow Ferry</a>, five minutes across.</p>',
        ),
      },
      {
        number: 36,
        title: 'What the bellows remember',
        sound: 'br-36.mp3',
        artwork: 'what-the-bellows-remember.jpg',
        finished: true,
        status: 'released',
        dayOffset: -12,
        hook: 'Whoever can read the folds knows how it was played.',
        tags: ['bellows', 'accordion'],
        guests: ['Agathe Lindenwick'],
        chapters: [
          [0, 'A fold in a piece of card'],
          [26.8, 'What Agathe reads'],
          [42.7, 'The seventh fold'],
          [56.3, 'New bellows, eighteen folds'],
          [70.3, 'Somebody will come'],
        ],
        notes: workshopNotes(
          'Bellows fold for ever where they were first folded, and whoever can read them knows how they were played.',
          'Agathe lays a finger on the seventh fold and says: it was a waltz. Then we make new ones, eighteen folds with corners of goat leather, and they do not know anything yet.',
          '<ul><li>Card: 0.8 mm, grain along the fold</li><li>Corners: goat, split thin</li><li>Gussets: cut on the skew, so that they give</li></ul>',
        ),
      },
      {
        number: 37,
        title: 'A letter from a chapel',
        sound: 'br-37.mp3',
        status: 'scheduled',
        dayOffset: 2,
        hook: 'One note will not stop, and Sunday comes.',
        tags: ['chapels', 'troubleshooting'],
        guests: ['Sister Amabel'],
        notes: workshopNotes(
          '“Our organ has one note that will not stop. We have put a hymn book on it. Please advise before Sunday.”',
          'Half an hour on the telephone with Sister Amabel, who had never held a screwdriver and takes the key action apart on the chapel floor while the choir practises over her head. Four things can make a note sound by itself, and three of them are dirt.',
          '<p>What to try first when a note sticks: <a href="https://bellowsandreeds.example/cipher">the list by the telephone</a>.</p>',
        ),
      },
      {
        number: 38,
        title: 'The concertina in the lifeboat',
        sound: null,
        status: 'draft',
        dayOffset: 16,
        notes:
          '<p>Salt gets into everything, and this one spent a winter in a locker of the lake rescue.</p><p>Ask Benno: brass or steel pins? Get the rescue song from Odile before Friday.</p>',
      },
    ],
  },
  {
    facts: {
      slug: 'slow-ferry',
      name: 'Slow Ferry',
      description: 'Five minutes from one bank to the other. Nothing happens, and you were there.',
      language: 'en-gb',
      author: 'Tove Aldermoor',
      ownerEmail: 'purser@slowferry.example',
      category: 'Society & Culture',
      subcategory: 'Places & Travel',
      explicit: false,
      type: 'episodic',
      zone: 'Europe/Zurich',
    },
    artwork: 'slow-ferry.jpg',
    usualTime: '00:05',
    everyWeeks: 2,
    listenerZones: [],
    feedFacts: {},
    strands: [],
    pages: [],
    comments: [],
    episodes: [
      {
        number: 4,
        title: 'The morning boat',
        sound: 'sf-4.m4a',
        chapters: [
          [0, 'A little before seven'],
          [29.2, 'The rhythm of the engine'],
          [39.6, 'The heron and the dog'],
        ],
        status: 'released',
        dayOffset: -17,
        notes:
          '<p>A little before seven, with four passengers, nine white shirts on a line, and a dog that has seen a heron.</p>',
      },
      {
        number: 5,
        title: 'The last boat, with the lamps lit',
        sound: 'sf-5.mp3',
        chapters: [
          [0, 'With the lamps lit'],
          [27.4, 'A boy with a cello'],
          [46.4, 'Around the third buoy'],
        ],
        status: 'released',
        dayOffset: -3,
        notes:
          '<p>At night the crossing takes a minute more. Tonight there is a boy on deck with a cello on his back.</p>',
      },
    ],
  },
]
