/** Light or dark. What draws its own colours reads it, so that it is drawn again when it changes. */
class Theme {
  dark = $state(document.documentElement.dataset.theme === 'slate');

  change() {
    const name = this.dark ? 'chalk' : 'slate';
    document.documentElement.dataset.theme = name;
    localStorage.setItem('theme', name);
    this.dark = !this.dark;
  }
}

export const theme = new Theme();
