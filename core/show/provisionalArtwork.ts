/**
 * A picture for a show that has none yet, as SVG, 1400 px square: quiet paper over deep water, the waves of each seed
 * others. Without words, so that nobody takes it for the artwork.
 */
export function provisionalArtwork(seed: number): string {
  const shades = [
    ['#f4efe4', '#1d4a5c', '#123442'],
    ['#efeae2', '#2c5364', '#173845'],
    ['#f1ede6', '#27566a', '#14303c'],
  ]
  const [paper, near, far] = shades[seed % shades.length]!
  const swell = 30 + (seed % 5) * 9
  const width = [280, 350, 200][seed % 3]!
  const wave = (y: number, colour: string): string => {
    const steps = Array.from(
      { length: Math.ceil(1400 / width) + 1 },
      () => `q${width / 4} ${-swell} ${width / 2} 0t${width / 2} 0`,
    ).join('')
    return `<path fill="${colour}" d="M0 ${y}${steps}V1400H0Z"/>`
  }
  return (
    `<svg xmlns="http://www.w3.org/2000/svg" width="1400" height="1400" viewBox="0 0 1400 1400"><rect width="1400" height="1400" fill="${paper}"/>` +
    `<rect x="400" y="360" width="600" height="400" rx="14" fill="none" stroke="${far}" stroke-width="16" stroke-dasharray="34 26"/>` +
    `${wave(900 + (seed % 7) * 12, near!)}${wave(1060 + (seed % 11) * 8, far!)}</svg>`
  )
}
