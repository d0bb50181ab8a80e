//! Addresses of networks, as settings say them.

use std::net::IpAddr;

use ipnet::IpNet;
use serde::{Deserialize, Deserializer};

/// Networks or single addresses, in a list or one after the other with commas.
pub fn listed<'de, D: Deserializer<'de>>(deserializer: D) -> Result<Vec<IpNet>, D::Error> {
    #[derive(Deserialize)]
    #[serde(untagged)]
    enum Listed {
        Words(String),
        List(Vec<String>),
    }
    let words = match Listed::deserialize(deserializer)? {
        Listed::Words(words) => words.split(',').map(str::to_owned).collect(),
        Listed::List(list) => list,
    };
    let network = |word: &str| {
        let one = word.parse::<IpAddr>().map(IpNet::from).or_else(|_| word.parse());
        one.map_err(|_| serde::de::Error::custom(format!("{word:?} is no address or network")))
    };
    words.iter().map(|word| word.trim()).filter(|word| !word.is_empty()).map(network).collect()
}
