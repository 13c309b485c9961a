/** Draws the demo's artwork as JPEG, that of shows large for the feed and small for the tags: node demo/artwork/make.mjs */
import { fileURLToPath } from 'node:url'
import sharp from 'sharp'

const here = fileURLToPath(new URL('.', import.meta.url))
const wave = (y, rise, width) => `M-100 ${y}` + Array.from({ length: Math.ceil(1800 / width) }, (_, i) => `q${width / 4} ${i % 2 ? rise : -rise} ${width / 2} 0 t${width / 2} 0`).join('')

/** A bellows above its reflection: folds that open like pages, over water. */
function bellows() {
  const folds = Array.from({ length: 9 }, (_, i) => {
    const x = 330 + i * 118
    const lean = (i - 4) * 26
    return `<path d="M${x} 380 l59 ${-60 - Math.abs(lean) / 3} l59 ${60 + Math.abs(lean) / 3} v560 l-59 -46 l-59 46z" fill="${i % 2 ? '#c9603a' : '#b24a26'}"/>
      <path d="M${x + 59} ${320 - Math.abs(lean) / 3} v574" stroke="#7c2f14" stroke-width="6"/>`
  }).join('')
  return `<rect width="1600" height="1600" fill="#f0e6d2"/>
    <rect y="1060" width="1600" height="540" fill="#103747"/>
    <rect x="190" y="300" width="150" height="700" rx="26" fill="#2a1c14"/><rect x="1388" y="300" width="150" height="700" rx="26" fill="#2a1c14"/>
    ${folds}
    ${Array.from({ length: 6 }, (_, i) => `<circle cx="265" cy="${390 + i * 100}" r="27" fill="#f0e6d2"/>`).join('')}
    ${Array.from({ length: 9 }, (_, i) => `<rect x="1412" y="${350 + i * 66}" width="102" height="44" rx="8" fill="${i % 3 === 1 ? '#103747' : '#f0e6d2'}"/>`).join('')}
    ${Array.from({ length: 5 }, (_, i) => `<path d="${wave(1130 + i * 88, 26, 400)}" fill="none" stroke="#5f9bae" stroke-opacity="${0.85 - i * 0.14}" stroke-width="${15 - i * 2}"/>`).join('')}`
}

/** A ferry with one lit window under a low sun. */
function ferry() {
  return `<rect width="1600" height="1600" fill="#1c3d52"/>
    <circle cx="1130" cy="560" r="210" fill="#f1b26a"/>
    <path d="M0 900 L260 690 L520 830 L820 640 L1180 850 L1600 700 V960 H0Z" fill="#163042"/>
    <rect y="940" width="1600" height="660" fill="#0d2431"/>
    <path d="M330 1010 H1270 L1190 1130 H420Z" fill="#f0e6d2"/>
    <rect x="520" y="860" width="500" height="150" fill="#d9cdb4"/><rect x="640" y="770" width="210" height="90" fill="#f0e6d2"/>
    <rect x="870" y="700" width="60" height="160" fill="#b24a26"/>
    ${Array.from({ length: 5 }, (_, i) => `<rect x="${556 + i * 92}" y="900" width="58" height="58" rx="6" fill="${i === 3 ? '#f7c24e' : '#35566a'}"/>`).join('')}
    ${Array.from({ length: 5 }, (_, i) => `<path d="${wave(1170 + i * 84, 20, 320)}" fill="none" stroke="#6fa3b5" stroke-opacity="${0.8 - i * 0.14}" stroke-width="${13 - i * 2}"/>`).join('')}
    <path d="M1020 1200 H1240 M1050 1284 H1210 M1075 1368 H1185" stroke="#f1b26a" stroke-width="15" stroke-linecap="round"/>`
}

/** One fold of a bellows, worn where it was folded most, beside water. */
function fold() {
  return `<rect width="1600" height="1600" fill="#103747"/>
    ${Array.from({ length: 7 }, (_, i) => `<path d="M${140 + i * 190} 1240 L${235 + i * 190} ${340 + Math.abs(i - 3) * 40} L${330 + i * 190} 1240Z" fill="${i === 3 ? '#f1b26a' : i % 2 ? '#c9603a' : '#b24a26'}"/>
      <path d="M${235 + i * 190} ${340 + Math.abs(i - 3) * 40} V1240" stroke="${i === 3 ? '#f0e6d2' : '#7c2f14'}" stroke-width="${i === 3 ? 14 : 6}" ${i === 3 ? 'stroke-dasharray="70 34"' : ''}/>`).join('')}
    <rect y="1240" width="1600" height="360" fill="#0d2431"/>
    ${Array.from({ length: 3 }, (_, i) => `<path d="${wave(1310 + i * 88, 22, 360)}" fill="none" stroke="#5f9bae" stroke-opacity="${0.8 - i * 0.2}" stroke-width="${13 - i * 2}"/>`).join('')}`
}

const drawn = (drawing) => sharp(Buffer.from(`<svg xmlns="http://www.w3.org/2000/svg" width="1600" height="1600" viewBox="0 0 1600 1600">${drawing}</svg>`))

await drawn(fold()).resize(1400, 1400).jpeg({ quality: 84 }).toFile(`${here}what-the-bellows-remember.jpg`)
for (const [name, drawing] of Object.entries({ 'bellows-and-reeds': bellows(), 'slow-ferry': ferry() })) {
  const svg = drawn(drawing)
  await svg.clone().jpeg({ quality: 88 }).toFile(`${here}${name}.jpg`)
  await svg.clone().resize(300, 300).jpeg({ quality: 80 }).toFile(`${here}${name}-small.jpg`)
}
