const KEY = 'lychnos-theme';

function wanted(): boolean {
  const kept = localStorage.getItem(KEY);
  return kept ? kept === 'dark' : matchMedia('(prefers-color-scheme: dark)').matches;
}

/** Light or dark: as chosen, else as the machine has it. Paper is light. */
class Theme {
  dark = $state(wanted());

  constructor() {
    this.show();
    addEventListener('beforeprint', () => document.documentElement.classList.remove('dark'));
    addEventListener('afterprint', () => this.show());
  }

  turn(): void {
    this.dark = !this.dark;
    localStorage.setItem(KEY, this.dark ? 'dark' : 'light');
    this.show();
  }

  private show(): void {
    document.documentElement.classList.toggle('dark', this.dark);
  }
}

export const theme = new Theme();
