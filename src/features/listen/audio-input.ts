/**
 * The audio input as it is: whatever a browser does to make speech clearer would be heard and measured.
 *
 * @throws Error with words for a person where there is none, or it may not be used
 */
export async function audioInput(): Promise<MediaStream> {
  const devices = navigator.mediaDevices as MediaDevices | undefined;
  if (!devices)
    throw new Error(
      'This browser hands out no audio input here: open the program from this machine or over an encrypted address.',
    );
  try {
    return await devices.getUserMedia({
      audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
    });
  } catch (error) {
    const name = error instanceof DOMException ? error.name : '';
    throw new Error(
      name === 'NotFoundError'
        ? 'There is no audio input: plug the interface in, and try again.'
        : 'The audio input may not be used: allow it for this page in the browser, and try again.',
      { cause: error },
    );
  }
}
