import { bringFiles } from '../numbers/logs/files'
import { systemClock } from '../platform/clock'
import { readConfiguration } from '../platform/configuration'
import { openPlatform } from './openPlatform'

/** Brings in the logs of a proxy or a delivery network that are named on the command line, and ends. */
const platform = await openPlatform(readConfiguration({ LOG_LEVEL: 'warn', ...process.env }), systemClock)
const areAllRead = await bringFiles(platform, process.argv.slice(2), words => console.log(words))
await platform.deliveries.stop()
await platform.events.stop()
await platform.database.close()
process.exit(areAllRead ? 0 : 1)
