/** The listener's page: a phone with a list and a player, in a look of its own. */
export const page = `<!doctype html>
<html lang="en">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<title>Stand-in listener</title>
<link rel="icon" href="data:,">
<style>
  * { box-sizing: border-box; }
  body { margin: 0; min-height: 100vh; display: grid; place-items: center; background: #4a4238; font: 15px/1.45 system-ui, sans-serif; color: #2b2118; }
  .phone { display: flex; flex-direction: column; width: min(400px, 100vw); height: min(780px, 100vh); background: #fff8ec; border: 10px solid #221c16; border-radius: 34px; overflow: hidden; }
  form { display: flex; gap: 8px; padding: 14px; background: #efdfc4; }
  input[type=url] { flex: 1; min-width: 0; padding: 8px 10px; border: 1px solid #8a7557; border-radius: 9px; background: #fffdf8; font: inherit; }
  button { min-height: 38px; padding: 0 14px; border: 0; border-radius: 9px; background: #6b3d14; color: #fff; font: 600 14px system-ui, sans-serif; cursor: pointer; }
  .head { display: flex; gap: 12px; padding: 14px; align-items: center; }
  .head img { width: 76px; height: 76px; border-radius: 10px; }
  .head h1 { margin: 0; font-size: 18px; }
  .head p { margin: 2px 0 0; font-size: 13px; color: #6a5a45; display: -webkit-box; -webkit-line-clamp: 2; -webkit-box-orient: vertical; overflow: hidden; }
  .says { padding: 14px; color: #8c2a0c; font-weight: 600; }
  #list { flex: 1; margin: 0; padding: 0 14px; list-style: none; overflow-y: auto; }
  #list > li { padding: 10px 0; border-top: 1px solid #e5d3b3; }
  #list > li > button { width: 100%; padding: 0; background: none; color: inherit; text-align: left; font: inherit; }
  #list > li > button b { display: block; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
  #list > li > button small { color: #6a5a45; font-variant-numeric: tabular-nums; }
  .notes { padding: 4px 0 6px; font-size: 14px; overflow-wrap: anywhere; }
  .notes p, .notes ul, .notes ol { margin: 0 0 8px; }
  .now { padding: 12px 14px 18px; background: #2d231a; color: #fff3df; }
  .now b { display: block; white-space: nowrap; overflow: hidden; text-overflow: ellipsis; }
  .now div { display: flex; gap: 10px; align-items: center; margin-top: 6px; font-variant-numeric: tabular-nums; }
  .now input { flex: 1; min-width: 0; accent-color: #eaa85a; }
  .now button { background: #eaa85a; color: #2d231a; }
</style>
</head>
<body>
<main class="phone">
  <form><input type="url" name="feed" aria-label="Address of a feed" placeholder="Address of a feed" required><button>Fetch</button></form>
  <p class="says" role="alert" hidden></p>
  <header class="head" hidden><img alt="Artwork"><div><h1></h1><p></p></div></header>
  <ol id="list"></ol>
  <section class="now" hidden aria-label="Playing">
    <b></b>
    <div><button type="button">Pause</button><input type="range" min="0" value="0" aria-label="Place"><span class="time">0:00</span></div>
  </section>
  <audio preload="metadata"></audio>
</main>
<script type="module">
  const find = selector => document.querySelector(selector)
  const sound = find('audio'), now = find('.now'), seek = find('.now input'), toggle = find('.now button')
  const clock = seconds => { const whole = Math.floor(seconds || 0); return Math.floor(whole / 60) + ':' + String(whole % 60).padStart(2, '0') }
  const day = date => new Date(date).toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year: 'numeric' })

  async function load(address) {
    const response = await fetch('/feed?address=' + encodeURIComponent(address))
    const feed = await response.json()
    find('.says').hidden = response.ok
    find('.head').hidden = !response.ok
    find('#list').replaceChildren()
    if (!response.ok) { find('.says').textContent = feed.says; return }
    find('.head h1').textContent = feed.title
    find('.head p').textContent = feed.description
    find('.head img').src = feed.artwork ?? ''
    find('#list').append(...feed.episodes.map(row))
  }

  function row(episode) {
    const item = document.createElement('li')
    item.innerHTML = '<button type="button"><b></b><small></small></button><div class="notes" hidden></div>'
    item.querySelector('b').textContent = episode.title
    item.querySelector('small').textContent = day(episode.date) + ' · ' + clock(Number(episode.duration))
    const notes = item.querySelector('.notes')
    notes.innerHTML = episode.notes
    item.querySelector('button').onclick = () => { notes.hidden = !notes.hidden; play(episode) }
    return item
  }

  function play(episode) {
    now.hidden = false
    now.querySelector('b').textContent = episode.title
    if (sound.src !== episode.sound) sound.src = episode.sound
    void sound.play()
  }

  toggle.onclick = () => sound.paused ? sound.play() : sound.pause()
  seek.oninput = () => { sound.currentTime = Number(seek.value) }
  for (const event of ['timeupdate', 'durationchange', 'play', 'pause', 'seeked']) sound.addEventListener(event, () => {
    seek.max = String(Math.floor(sound.duration || 0))
    seek.value = String(sound.currentTime)
    find('.time').textContent = clock(sound.currentTime)
    toggle.textContent = sound.paused ? 'Play' : 'Pause'
  })

  find('form').onsubmit = event => { event.preventDefault(); void load(find('form input').value) }
  const given = new URLSearchParams(location.search).get('feed')
  if (given) { find('form input').value = given; void load(given) }
</script>
</body>
</html>`
