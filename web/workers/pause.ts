/** Lets messages that wait be heard before a long calculation goes on: a timer would sleep for milliseconds each time. */
export const pause = (): Promise<void> =>
  new Promise((done) => {
    const { port1, port2 } = new MessageChannel();
    port1.onmessage = () => done();
    port2.postMessage(0);
  });
