export default function stop(): void {
  globalThis.reedServer?.kill();
}
