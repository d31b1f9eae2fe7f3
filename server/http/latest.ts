/** Values by their names, at most so many: those set or asked for last. */
export class Latest<T> {
  private readonly kept = new Map<string, T>()

  constructor(private readonly most: number) {}

  get(name: string): T | undefined {
    const found = this.kept.get(name)
    if (found !== undefined) this.set(name, found)
    return found
  }

  set(name: string, value: T): void {
    this.kept.delete(name)
    this.kept.set(name, value)
    const [oldest] = this.kept.keys()
    if (this.kept.size > this.most && oldest !== undefined) this.kept.delete(oldest)
  }
}
