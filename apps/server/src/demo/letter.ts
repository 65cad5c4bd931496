export const letter = `
title: Saltmarsh Ferry Trust

subtitle: The Old Toll House, Quay Lane, Saltmarsh

14 November

The Harbour Master, Harbour Office, East Quay

heading1: Mooring rights at the east slipway

Dear Captain Orrin,

The Trust has now completed the survey of the **east slipway** and writes to apply for the mooring rights that the chain ferry will need when trials begin in the spring. The hull was launched on the neap tide of 2 October, and the haulage gear has been proved under a load of two tonnes.

We ask for the use of the slip from two hours before to two hours after high water, on weekdays outside the regatta, and for leave to lay a ground chain along the line shown in the enclosed plan. The chain lies on the bed and is raised only beneath the ferry as it passes, so that vessels drawing less than three metres are not hindered at any state of the tide.

Three members of the Trust hold the certificate of competence, and two more will sit for it in January. A copy of the risk report and the minutes of the meeting at which it was adopted are enclosed, together with a letter from our insurers, who have agreed to cover the trials on the terms that the authority set out in June.

We should be glad to walk the slip with you at any low water that suits, and to bring the ferry alongside for your inspection before the first crossing. The ferrymen of the last century asked the same of your predecessor, in a letter that still hangs in the Toll House:

quotation: We ask nothing but the width of a chain and the patience of the tide, and we will be gone from your water before it has noticed us.

Our aims are not very different. We shall be grateful for an answer before the trustees meet on 1 December, so that the winter's work on the landing stage can be put in hand.

Yours sincerely,

**Imre Fallow** Secretary to the Trust
`
