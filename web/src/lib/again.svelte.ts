/**
 * Asks a person for the own password once more, where the server wants that before it shows or hands out something
 * secret. A person who asked waits, and sends the same again when it was right.
 */
class Again {
  asking = $state(false);
  private waiting: ((typed: boolean) => void)[] = [];

  ask(): Promise<boolean> {
    this.asking = true;
    return new Promise((resolve) => this.waiting.push(resolve));
  }

  /** @param typed whether the right password was typed; else the person has thought better of it */
  end(typed: boolean): void {
    this.asking = false;
    const all = this.waiting;
    this.waiting = [];
    all.forEach((each) => each(typed));
  }
}

export const again = new Again();
