export { BOND_SCATTER, boundaryBond, type Boundary, chipShare, flakeUm, jointBond } from './chip';
export { adhesionClass, adhesionGrade, flakeSizeClass, flakingClass } from './ratings';
