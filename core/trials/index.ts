export { lookAgainAndAgain, type KindLooked, type Looking, type PersonLooked } from './looking'
export { UNCHANGED } from './worlds'
