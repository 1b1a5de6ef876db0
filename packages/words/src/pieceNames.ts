import { type FittingKind, type FittingTreatment } from '@zaffet/contract';
import { type Facing } from '@zaffet/core/piece';
import { type CoatAge, type GrainWay, type OldCoat, type ReliefKind, type Use } from '@zaffet/core/plan';

export const GRAIN_NAMES: Readonly<Record<GrainWay, string>> = {
  along: 'Grain runs the long way',
  across: 'The short way',
};

export const RELIEF_NAMES: Readonly<Record<ReliefKind, string>> = {
  flutes: 'Flutes or beads',
  carving: 'Carved',
};

export const USE_NAMES: Readonly<Record<Use, string>> = {
  display: 'Looked at',
  hands: 'Handled',
  wiping: 'Wiped, plants',
  'hot-cups': 'Hot cups',
  food: 'Food',
  children: 'Children',
};

export const OLD_COAT_NAMES: Readonly<Record<OldCoat, string>> = {
  none: 'Nothing',
  'water-paint': 'Water-based paint',
  'oil-paint': 'Oil or enamel paint',
  varnish: 'Varnish',
  shellac: 'Shellac',
  oil: 'Oil',
  wax: 'Wax or polish',
  unknown: 'Nobody knows',
};

export const COAT_AGE_NAMES: Readonly<Record<CoatAge, string>> = {
  fresh: 'Some weeks',
  years: 'Some years',
  old: 'Half a century',
  unknown: 'Nobody knows',
};

export const FACING_NAMES: Readonly<Record<Facing, string>> = {
  top: 'Top',
  front: 'Front',
  left: 'Left side',
  right: 'Right side',
  back: 'Back',
  bottom: 'Under side',
  inside: 'Inside',
  loose: 'By itself',
};

export const FITTING_NAMES: Readonly<Record<FittingKind, string>> = {
  hardware: 'Hardware',
  drawer: 'Drawer',
  hinge: 'Hinges',
  glass: 'Glass',
  mesh: 'Mesh',
  upholstery: 'Upholstery',
  inside: 'Inside',
};

export const TREATMENT_NAMES: Readonly<Record<FittingTreatment, string>> = {
  off: 'comes off',
  masked: 'is masked',
  stays: 'is painted too',
};
