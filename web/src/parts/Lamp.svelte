<svg width="22" height="24" viewBox="0 0 22 24" aria-hidden="true">
  <path d="M11 1.5c2.6 3 4 5 4 7a4 4 0 0 1-8 0c0-2 1.4-4 4-7z" fill="#F3B43A" />
  <path d="M3 15.2h16c-.6 3.6-3 5.6-6 6.2v1.1H9v-1.1c-3-.6-5.4-2.6-6-6.2z" fill="#fff" />
</svg>
