/** Texts of the Teach stage. The steps themselves are said by the core's wording. */
export const teach = {
  teach: {
    subtitle: 'Step by step',
    nothing: 'There is no tab to teach yet.',
    toArrange: 'Arrange this tune',
    empty: 'Nothing is played in this arrangement.',
    back: 'Back',
    next: 'Next',
    where: 'Step {{step}} of {{count}}',
    stepsOf: 'What to do',
    script: 'The whole script',
    scriptHide: 'Step by step',
    full: 'Fill the screen',
    loop: 'Play again and again',
    loops: { none: 'from here on', measure: 'this measure', start: 'from the start to here' },
    hear: 'Hear it',
    stop: 'Stop',
    tempo: 'Tempo',
    percent: '{{n}} %',
    keys: {
      next: 'Next step',
      back: 'Step back',
      nextMeasure: 'Next measure',
      lastMeasure: 'Measure before',
      script: 'Whole script or step by step',
    },
  },
}
