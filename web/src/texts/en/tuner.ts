/** Texts of the tuner. */
export const tuner = {
  tuner: {
    title: 'Tuner',
    from: 'What is listened to',
    microphone: 'Microphone',
    simulated: 'Simulated string',
    listen: 'Listen',
    stop: 'Stop listening',
    a4: 'A4 at',
    capoOn: 'With the capo on (fret {{capo}})',
    capoPulls: 'A capo pulls strings sharp: check them again after each move of it.',
    again: 'Tuning or capo has changed: check every string again.',
    reading: 'What is heard',
    off: 'Press “Listen”, then pluck one string.',
    asking: 'Waiting for the microphone: the browser may ask for permission.',
    pluck: 'Pluck one string and let it ring.',
    string: 'string {{string}}',
    one: '{{string}} · {{pitch}}',
    which: 'Which string',
    auto: 'The one I pluck',
    done: 'in tune',
    allDone: 'Every string is in tune.',
    course: 'One string of a pair at a time: damp the other with a finger, then tune it to the same mark.',
    turn: {
      inTune: 'In tune',
      tightenALittle: '{{cents}} cents flat: tighten a little',
      tighten: '{{cents}} cents flat: tighten',
      loosenALittle: '{{cents}} cents sharp: loosen a little',
      loosen: '{{cents}} cents sharp: loosen',
      otherString: 'This sounds like another string than {{string}}',
    },
    fault: {
      refused:
        'The browser has refused the microphone. Allow it beside the address of the page and press “Listen” again, or try the simulated string.',
      none: 'No microphone was found. Plug one in and press “Listen” again, or try the simulated string.',
      taken:
        'Another program has the microphone. Close it and press “Listen” again, or try the simulated string.',
      notOffered:
        'Under this address the browser gives no microphone: open the page on this machine (localhost) or over https. The simulated string works everywhere.',
    },
    standIn: 'A string that nobody hears stands in for yours: detune it and watch the needle.',
    standInString: 'String of the simulation',
    standInCents: 'Off by {{cents}} cents',
    standInNoise: 'A noisy room',
    private: 'Nothing is recorded, and no sound leaves this device.',
  },
}
