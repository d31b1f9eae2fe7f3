/** Water changes a tank is judged with where nobody says otherwise: 30 % a week. Common practice, no source. */
export const USUAL_CHANGES = { changeShare: 0.3, changeDays: 7 } as const
/** Alkalinity of the water put in where nobody says otherwise (kg CaCO₃/m³): middling. Common practice, no source. */
export const USUAL_ALKALINITY = 0.1
