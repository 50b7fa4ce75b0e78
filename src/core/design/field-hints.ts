/**
 * What each field of the Supply is, its usual range, and what more of it changes: one sentence or two, for the line
 * beside the fields. By the field's path, or by 'choice' and the label of a list.
 */
export const FIELD_HINTS: Readonly<Record<string, string>> = {
  'choice Fed from': 'What gives the energy: the mains through a transformer, a battery, a DC adapter.',
  'choice Diode class':
    'Class of the diodes. Schottky ones take half the volts of silicon and bear less reverse voltage; valves take tens of volts and start softly.',
  'choice Kind of choke':
    'An even one keeps its inductance; a swinging one has more of it at small currents, where a choke input needs it.',
  'choice Family': 'Ready-made fixed, adjustable or low-dropout regulators, or discrete ones built of parts.',
  'choice Part': 'Which of the family: by the amperes it bears and the volts its input does.',
  'choice Pass transistor':
    'What carries the current and burns the rest. More amperes, volts and watts than it ever sees, with room.',
  'choice Ahead of it': 'A regulator or a resistor ahead of this one takes part of the volts, and of the heat.',
  'choice Op-amps fed from':
    'The raw rail, or a small winding of their own: with their own they steer down to nothing.',
  'choice Metal to sink':
    'What lies between tab and sink: bare with paste is coolest, mica or a pad insulates and costs half a kelvin per watt.',
  'choice Holds': 'Volts the regulator ahead holds: those of its family, a dropout above what comes after.',
  'choice Output': 'Volts it holds: those the family is made for.',
  'choice Rail': 'Which rail of a split supply it hangs on.',
  'choice Housing':
    'The package decides how many kelvin a watt lie between junction and metal, and what it does without a sink.',
  'choice Behaves as':
    'How the load draws: the same current always, like a resistor, or the same watts, which draw more as the volts fall.',
  'choice Against swapped leads':
    'A diode in the lead keeps swapped leads harmless. Silicon takes 0.8 V, Schottky 0.4 V, none risks everything behind.',
  'heater.ratedV': 'Volts of the heater winding at its rated load: 6.3 V as a rule.',
  'heater.currentA': 'What all heaters draw together. It loads the same core as the anodes.',
  'output.sinkKPerW': 'Sink of this output’s own regulator, kelvin per watt. Left empty it stands bare.',
  'rectifier.jcKPerW': 'From junction to case, kelvin per watt, as its sheet says.',
  'rectifier.jaKPerW': 'From junction to free air without a sink, kelvin per watt, as its sheet says.',
  'regulator.aboveV':
    'How far above the output the regulator ahead holds: the dropout of the second one and what it needs in hand.',
  'regulator.seriesOhm':
    'Feeds zener and base from the rail. At the lowest valley it has to leave a few milliamperes for the zener.',
  'regulator.zenerV': 'The reference. About 5.6 V drifts least with warmth; lower ones are softer.',
  'reservoir.cans': 'How many alike cans stand side by side: they share the ripple current.',
  'choice Net': 'Volts, hertz and limits of a public network. Limits of ±10 % cover most of them.',
  'mains.voltageRms':
    'RMS volts at the outlet, 230 V or 120 V as a rule. Everything behind the winding goes with it in proportion.',
  'mains.frequencyHz': 'Hertz of the mains, 50 or 60. More of them refill the reservoir more often: less ripple.',
  'mains.lowPct': 'How far the mains may fall, usually 10 %. It decides the headroom.',
  'mains.highPct':
    'How far the mains may rise, usually 6 to 10 %. It decides volts on the can, heat and the input limit.',
  'mains.flatTopPct':
    'How much of the peak is missing where many switched supplies hang on the line, 0 to 5 %. A reservoir lives by the peak.',
  'transformer.ratedV':
    'RMS volts of the winding at its rated load. Too few and the valley falls short, too many and the rest is burnt.',
  'transformer.ratedVA':
    'Size of the core, volts times amperes. Charging pulses count about 1.8 times: a bigger one is stiffer and cooler.',
  'transformer.regulationPct':
    'How far the winding rises without load: 25 % for a few VA, 6 % for 200 VA. A soft one gives more volts idle than you want.',
  'transformer.hotC': 'Temperature of its copper at work, 60 to 90 °C. Warm copper has a quarter more resistance.',
  'transformer.leakageH':
    'Inductance the windings do not share: microhenries of a toroid, tens of millihenries of an old anode winding. It softens the pulses.',
  'reservoir.capacitanceF':
    'What holds the rail up between the pulses: about 1000 to 4700 µF an ampere. More of it, less ripple and harder pulses.',
  'reservoir.ratedV': 'Volts printed on the can. Keep a sixth in hand over what it stands at idle, at high line.',
  'reservoir.esrOhm':
    'Resistance inside the can, tens of milliohms; an old one has several times as much. It adds to the ripple.',
  'reservoir.rippleA': 'Ripple current the can bears for its rated life. The pulses are two to three times the load.',
  'choice Grade': 'Temperature the life on its label is meant at. 105 °C lasts about four times as long as 85 °C.',
  'reservoir.tolerancePct': 'How far a new can may be off, usually ±20 %. The low end is judged.',
  'reservoir.agedPct': 'What it may lose over its life, 20 to 30 %. Headroom is judged with an aged one.',
  'filter.bleederOhm':
    'Resistor that empties the capacitors after switching off. Smaller is quicker and burns more all the time.',
  'filter.choke.inductanceH':
    'Of a choke input at least the critical value, or its output climbs to the peak. More of it, less ripple.',
  'filter.choke.resistanceOhm': 'Resistance of its wire: volts it takes from the rail, times the load.',
  'filter.choke.ratedA': 'Direct current it bears before its core saturates and it is a choke no more.',
  'filter.resistor.resistanceOhm': 'Takes volts in proportion to the load, and ripple with the capacitor behind it.',
  'filter.capacitor.capacitanceF': 'With the resistor or choke ahead of it, what ripple is left.',
  'filter.capacitor.ratedV': 'Volts printed on the can. It sees the idle volts of the rail like the reservoir.',
  'choice Filter':
    'Reservoir alone, or more steps: a resistor or a choke between two cans, or a choke ahead of the first.',
  'demand.outputV': 'Volts at the load.',
  'demand.outputA': 'The most it draws for long. It decides valley, surge and ripple.',
  'demand.typicalA': 'What it draws over minutes. It decides what gets hot.',
  'demand.negativeA': 'What the minus rail draws where it is not the same.',
  'demand.rippleVpp': 'Ripple the load puts up with, peak to peak: millivolts for audio, volts for a motor.',
  'heat.sinkKPerW':
    'Kelvin of rise per watt: a clip-on 20, a palm-sized 5, a hand-sized 1.5. Smaller is cooler and dearer.',
  'source.freshV': 'Open volts of a charged battery. They decide heat and the input limit.',
  'source.emptyV': 'Open volts at which you change it. They decide the headroom.',
  'source.resistanceOhm': 'What it sags by per ampere: milliohms of lead, half an ohm of small alkaline cells.',
  'source.capacityAh': 'Ampere-hours between full and given up. Divided by the load it is how long it lasts.',
  'source.ratedV': 'Volts on its plate, at its rated current.',
  'source.ratedA': 'Amperes on its plate. Past them an unregulated one sags, a regulated one cuts off.',
  'source.idlePct':
    'How far it stands above its plate without load: a third for unregulated ones, nothing for regulated.',
  'source.spreadPct':
    'How far one may differ from the next, with the mains behind it: 10 to 15 % unregulated, 3 % regulated.',
  'source.rippleVpp': 'Ripple it leaves at its rated current: a volt or two unregulated, tens of millivolts regulated.',
  'source.limitA': 'Where it cuts off. Left empty it only goes soft.',
};
