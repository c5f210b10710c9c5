// Serial ports of this browser (Web Serial) as far as a page uses them: one adapter, which is reached over HTTP.
(() => {
  const ask = async (path, body) => {
    const answer = await fetch(`ADAPTER${path}`, { method: 'POST', body });
    return { took: answer.headers.get('x-status') === '200', bytes: new Uint8Array(await answer.arrayBuffer()) };
  };
  const state = async () => new TextDecoder().decode((await ask('/state')).bytes).split(' ');
  const lost = () => new DOMException('The device has been lost.', 'NetworkError');

  class Port extends EventTarget {
    readable = null;
    writable = null;
    isOpen = false;

    async open(settings) {
      const answer = await ask(`/open?${new URLSearchParams(settings)}`);
      if (!answer.took) throw new DOMException('Failed to open serial port.', 'NetworkError');
      this.isOpen = true;
      this.readable = new ReadableStream({
        pull: async (controller) => {
          while (this.isOpen) {
            const read = await ask('/read');
            if (!read.took) {
              this.readable = null;
              controller.error(lost());
              this.dispatchEvent(new Event('disconnect'));
              return;
            }
            if (read.bytes.length > 0) {
              controller.enqueue(read.bytes);
              return;
            }
          }
        },
      });
      this.writable = new WritableStream({
        write: async (bytes) => {
          if (!(await ask('/write', bytes)).took) throw lost();
        },
      });
    }
    async close() {
      if (this.readable?.locked || this.writable?.locked) throw new DOMException('Locked.', 'InvalidStateError');
      this.isOpen = false;
      await ask('/close');
    }
    async setSignals() {}
  }

  const port = new Port();
  const serial = Object.assign(new EventTarget(), {
    requestPort: async () => {
      await ask('/grant');
      return port;
    },
    getPorts: async () => {
      const [, granted] = await state();
      return granted === 'true' ? [port] : [];
    },
  });
  Object.defineProperty(Navigator.prototype, 'serial', { get: () => serial, configurable: true });
  addEventListener('pagehide', () => port.isOpen && navigator.sendBeacon('ADAPTER/close'));
  let pluggedIn = true;
  setInterval(async () => {
    const [now] = await state();
    if (now === 'true' && !pluggedIn) serial.dispatchEvent(new Event('connect'));
    pluggedIn = now === 'true';
  }, 200);
})();
