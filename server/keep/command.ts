import { dirname, join, resolve } from 'node:path'
import { BackupRefused, makeBackup, restoreBackup, stamp } from './backup'

const say = (text: string): void => void process.stdout.write(`${text}\n`)
const megabytes = (bytes: number): string => `${(bytes / 2 ** 20).toFixed(1)} MB`

/** `backup FILE`, `restore FILE [--over]`: what the commands of these names carry out. */
async function main(): Promise<void> {
  const [what, path, ...flags] = process.argv.slice(2)
  const url = process.env.DATABASE_URL
  if (!url || !path) throw new BackupRefused('Say which file, as in: npm run backup shop.tar')
  const file = resolve(path)
  if (what === 'backup') {
    const { bytes, tables } = await makeBackup(url, file)
    say(
      `Backed up ${tables.model ?? 0} models and ${tables.photo ?? 0} photos to ${file} (${megabytes(bytes)}).`,
    )
  } else if (what === 'restore') {
    const over = flags.includes('--over')
      ? join(dirname(file), `ypsometer-before-restore-${stamp()}Z.tar`)
      : undefined
    const { made, tables } = await restoreBackup(url, file, over)
    say(`Restored ${tables.model ?? 0} models as they were at ${made}. Start Ypsometer anew to see them.`)
  } else throw new BackupRefused(`There is no command “${what ?? ''}” here: backup or restore.`)
}

main().catch((error: unknown) => {
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exit(1)
})
