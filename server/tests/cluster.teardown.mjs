export default async function teardown() {
  globalThis.__cluster?.stop()
}
