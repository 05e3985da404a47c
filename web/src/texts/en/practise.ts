/** Texts of the stage on which a tune is practised. */
export const practise = {
  practise: {
    nothing: 'There is no tab to practise yet.',
    today: 'Today',
    nothingDue: 'Nothing is due today. Any piece can be played again; the whole tune keeps it warm.',
    drills: 'Drills for the hard changes',
    clock: 'Start the clock ({{time}})',
    clockRuns: '{{time}}: stop the clock',
    warmUp: 'Warm up first: open strings, slowly, a minute or two.',
    rest: '{{minutes}} minutes: put the instrument down for one, let the arms hang. Stop when anything hurts.',
    ladder: 'Tempos on the way to the goal',
    needed: '{{clean}} of {{needed}} clean ones in a row at ♩ = {{bpm}}',
    done: 'At the goal. Write it down, and go on.',
    hear: 'Play it in a loop',
    pause: 'Stop',
    clean: 'Clean',
    missed: 'Not yet',
    write: 'Write it down',
    written: 'Written down: {{piece}}, ♩ = {{bpm}}, {{clean}} clean in a row.',
  },
}
